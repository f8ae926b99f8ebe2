<?php

/** What hangs on the board by the honey house. */
class Notice
{
    public $title;
    public $author;

    public function __construct($title, ?Keeper $author = null)
    {
        $this->title = $title;
        $this->author = $author;
    }

    public function signature()
    {
        return $this->author !== null ? $this->author->name() : null;
    }
}

class Keeper
{
    private $name;
    private $nick;

    public function __construct($name, $nick = null)
    {
        $this->name = $name;
        $this->nick = $nick;
    }

    public function name()
    {
        return isset($this->nick) ? $this->nick : $this->name;
    }
}

class Board
{
    private $notices = null;

    public function pin(Notice $notice)
    {
        if ($this->notices === null) {
            // the first of the day
            $this->notices = [];
        }
        $this->notices[] = $notice;
    }

    public function all(array $options = [])
    {
        $limit = isset($options['limit']) ? $options['limit'] : 10;
        $mark = $options['mark'] ?? '-';
        $lines = [];
        foreach (array_slice($this->notices ?? [], 0, $limit) as $notice) {
            $signature = $notice->signature();
            if (is_null($signature)) {
                $signature = 'the board';
            }
            $lines[] = "$mark {$notice->title} ($signature)";
        }
        return $lines;
    }
}

function save(string $path, array $lines): int
{
    $file = fopen($path, 'w');
    foreach ($lines as $line) {
        fwrite($file, $line . "\n");
    }
    fclose($file);
    return filesize($path);
}

$board = new Board();
$board->pin(new Notice('Swarm at the mill', new Keeper('Bo Sorrel', 'Bo')));
$board->pin(new Notice('Wax wanted'));
$board->pin(new Notice('Meeting', new Keeper('Ada Fennel')));
echo implode("\n", $board->all()), "\n";
echo implode("\n", $board->all(['limit' => 1, 'mark' => null])), "\n";
echo save($argv[1], $board->all()), "\n";
