<?php
//! target 8.1
$count = 0;
$next = function ($by) use (&/* ours */ $count) { return $count += $by; };
