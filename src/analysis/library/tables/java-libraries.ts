import type { LibraryClasses } from "../facts.js";
import { rowsOf } from "./words.js";

const { classesIn } = rowsOf("java");

const interfaces = (from: string, names: string): LibraryClasses => classesIn(from, names, ["function"]);

/** Classes of libraries that much code uses: collections, and interfaces with one method to write. */
export const OF_LIBRARIES: readonly LibraryClasses[] = [
  classesIn(
    "com.google.common.collect",
    "ImmutableCollection ImmutableList ImmutableSet ImmutableSortedSet Multiset HashMultiset LinkedHashMultiset TreeMultiset " +
      "ImmutableMultiset EvictingQueue",
    ["collection"],
  ),
  classesIn("com.google.common.collect", "ImmutableList", ["sequence"]),

  interfaces("com.google.common.base", "FinalizableReference Function Predicate Supplier"),
  interfaces("com.google.common.cache", "RemovalListener Weigher"),
  interfaces("com.google.common.collect", "Interner Maps.EntryTransformer EntryTransformer"),
  interfaces("com.google.common.eventbus", "SubscriberExceptionHandler"),
  interfaces("com.google.common.hash", "Funnel"),
  interfaces("com.google.common.io", "InputSupplier OutputSupplier"),
  interfaces("com.google.common.util.concurrent", "AsyncCallable AsyncFunction"),
  ...["org.apache.commons.collections", "org.apache.commons.collections4"].map((from) =>
    interfaces(from, "Closure Factory Predicate Transformer"),
  ),
  interfaces("javafx.beans", "InvalidationListener"),
  interfaces("javafx.beans.value", "ChangeListener"),
  interfaces("javafx.collections", "ListChangeListener MapChangeListener SetChangeListener"),
  interfaces("javafx.event", "EventHandler"),
  interfaces("javafx.util", "Callback"),
  interfaces(
    "android.content",
    "DialogInterface.OnCancelListener DialogInterface.OnClickListener DialogInterface.OnDismissListener",
  ),
  interfaces(
    "android.view",
    "View.OnClickListener View.OnFocusChangeListener View.OnLongClickListener View.OnTouchListener",
  ),
  interfaces("org.eclipse.swt.widgets", "Listener"),
  interfaces("org.junit.function", "ThrowingRunnable"),
  interfaces("org.junit.jupiter.api.function", "Executable ThrowingConsumer ThrowingSupplier"),
  interfaces(
    "org.springframework.jdbc.core",
    "PreparedStatementCreator PreparedStatementSetter ResultSetExtractor RowCallbackHandler RowMapper",
  ),
  interfaces("org.springframework.transaction.support", "TransactionCallback"),
  interfaces("rx.functions", "Action0 Action1 Action2 Func0 Func1 Func2"),
  ...["io.reactivex.functions", "io.reactivex.rxjava3.functions"].map((from) =>
    interfaces(
      from,
      "Action BiConsumer BiFunction BiPredicate BooleanSupplier Cancellable Consumer Function Predicate",
    ),
  ),
];
