;; Walks a whole syntax tree with the parser's own cursor, inside the parser's memory.
;;
;; The cursor is the one in the parser's transfer buffer, and stands on the root. Each node is numbered in document
;; order; for node n, entry n of each array is written:
;;   kind, field: u16; start, end, after, parent: i32. `after` is the number of the first node after the subtree.
;; Where `errors` is not 0, the highest bit of a field says that the parser made the node up.
;; At most `max` nodes are written; the result is how many were.
(module
  (import "parser" "memory" (memory 1))
  (import "parser" "first" (func $first (param i32) (result i32)))
  (import "parser" "next" (func $next (param i32) (result i32)))
  (import "parser" "up" (func $up (param i32) (result i32)))
  (import "parser" "kind" (func $kind (param i32) (result i32)))
  (import "parser" "start" (func $start (param i32) (result i32)))
  (import "parser" "end" (func $end (param i32) (result i32)))
  (import "parser" "field" (func $field (param i32) (result i32)))
  (import "parser" "missing" (func $missing (param i32) (result i32)))

  ;; Address of entry n of an array of i32, or of u16.
  (func $long (param $array i32) (param $n i32) (result i32)
    (i32.add (local.get $array) (i32.shl (local.get $n) (i32.const 2))))
  (func $short (param $array i32) (param $n i32) (result i32)
    (i32.add (local.get $array) (i32.shl (local.get $n) (i32.const 1))))

  (func (export "walk")
    (param $tree i32) (param $max i32) (param $errors i32)
    (param $starts i32) (param $ends i32) (param $after i32) (param $parents i32)
    (param $kinds i32) (param $fields i32)
    (result i32)
    (local $n i32) (local $parent i32) (local $here i32) (local $f i32)
    (local.set $parent (i32.const -1))
    (block $done
      (loop $walk
        (br_if $done (i32.ge_u (local.get $n) (local.get $max)))
        (local.set $here (local.get $n))
        (i32.store16 (call $short (local.get $kinds) (local.get $here)) (call $kind (local.get $tree)))
        (i32.store (call $long (local.get $starts) (local.get $here)) (call $start (local.get $tree)))
        (i32.store (call $long (local.get $ends) (local.get $here)) (call $end (local.get $tree)))
        (i32.store (call $long (local.get $parents) (local.get $here)) (local.get $parent))
        (local.set $f (call $field (local.get $tree)))
        (if (local.get $errors)
          (then (if (call $missing (local.get $tree))
            (then (local.set $f (i32.or (local.get $f) (i32.const 0x8000)))))))
        (i32.store16 (call $short (local.get $fields) (local.get $here)) (local.get $f))
        (local.set $n (i32.add (local.get $n) (i32.const 1)))
        (if (call $first (local.get $tree))
          (then (local.set $parent (local.get $here)) (br $walk)))
        (i32.store (call $long (local.get $after) (local.get $here)) (local.get $n))
        (loop $leave
          (if (call $next (local.get $tree)) (then (br $walk)))
          (br_if $done (i32.eqz (call $up (local.get $tree))))
          (i32.store (call $long (local.get $after) (local.get $parent)) (local.get $n))
          (local.set $parent (i32.load (call $long (local.get $parents) (local.get $parent))))
          (br $leave))))
    (local.get $n)))
