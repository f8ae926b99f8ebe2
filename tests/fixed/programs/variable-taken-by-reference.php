<?php
//! target 8.1
function add(array &$jars) { $jars[] = 'lid'; }

class Store
{
    public $jars = ['a'];
    public ?array $spare = null;

    function &shelf(?array $own) { if ($own !== null) { return $own; } return $this->jars; }
    function link($own) { if ($own !== null) { $jars = &$own; } else { $jars = &$this->jars; } $jars[] = 'b'; }
    function fill($own) { if (isset($own)) { add($own); } else { add($this->jars); } }
    function late() { if ($this->spare === null) { $this->spare = &$this->jars; } $this->spare[] = 'c'; }
}

$store = new Store();
$shelf = &$store->shelf(null);
$shelf[] = 'd';
$store->link(null);
$store->fill(null);
$store->late();
echo implode(',', $store->jars), "\n";
