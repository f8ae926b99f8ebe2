<?php
//! target 8.0
//! run
class Hive { function open() { return 'open'; } }
$hive = null;
?>
<p><?= $hive !== null ? $hive->open() : null ?></p> //! certain
<?php
if ($hive !== null) { ?>
<?= $hive->open() ?>
<?php }
