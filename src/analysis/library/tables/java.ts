import type { LibraryCalls, LibraryClasses } from "../facts.js";
import { OF_LIBRARIES } from "./java-libraries.js";
import { rowsOf } from "./words.js";

const { calls, callsIn, classes, classesIn } = rowsOf("java");

/** What `java.lang` has, which needs no import, and what the other packages of the platform have. */
export const CALLS: readonly LibraryCalls[] = [
  calls(
    "Math.max Math.min Math.abs Math.floor Math.ceil Math.round Math.sqrt Math.pow Math.sin Math.cos Math.tan " +
      "Math.log Math.log10 Math.exp Math.hypot Math.signum",
    // A boxed number that is null throws when it is taken out.
    { effect: "none" },
  ),
  calls("System.currentTimeMillis System.nanoTime", { effect: "reads", neverThrows: true, gives: "long" }),
  calls("System.identityHashCode", { effect: "none", neverThrows: true, gives: "int" }),
  calls("System.lineSeparator", { effect: "none", gives: "String" }),
  calls("System.getProperty System.getenv", { effect: "reads", orMissing: true, keeps: true }),
  calls("Thread.currentThread", { effect: "reads", gives: "Thread" }),
  calls("String.valueOf String.format String.join", { effect: "none", asksArguments: true, gives: "String" }),
  calls("Integer.parseInt Integer.compare Integer.signum", { effect: "none", gives: "int" }),
  calls("Long.parseLong", { effect: "none", gives: "long" }),
  calls("Double.parseDouble", { effect: "none", gives: "double" }),
  calls("Boolean.parseBoolean", { effect: "none", neverThrows: true, gives: "boolean" }),
  calls("Integer.valueOf", { effect: "none", gives: "Integer" }),
  calls("Long.valueOf", { effect: "none", gives: "Long" }),
  calls("Double.valueOf", { effect: "none", gives: "Double" }),
  calls("Boolean.valueOf", { effect: "none", gives: "Boolean" }),
  calls(
    "Integer.toString Integer.toHexString Integer.toBinaryString Long.toString Double.toString Boolean.toString " +
      "Character.toString Long.toHexString",
    { effect: "none", gives: "String" },
  ),
  calls(
    "Character.isDigit Character.isLetter Character.isLetterOrDigit Character.isWhitespace Character.isUpperCase " +
      "Character.isLowerCase Double.isNaN Double.isInfinite",
    { effect: "none", gives: "boolean" },
  ),
  calls(
    "String#trim String#strip String#substring String#toLowerCase String#toUpperCase String#concat String#replace " +
      "String#replaceAll String#replaceFirst String#repeat String#toString String#intern",
    { effect: "none", gives: "String" },
  ),
  calls("String#length String#indexOf String#lastIndexOf String#hashCode String#compareTo", {
    effect: "none",
    gives: "int",
  }),
  calls(
    "String#isEmpty String#isBlank String#startsWith String#endsWith String#equalsIgnoreCase String#matches",
    {
      effect: "none",
      gives: "boolean",
    },
  ),
  calls("String#equals String#contains", { effect: "none", asksArguments: true, gives: "boolean" }),
  calls("String#charAt", { effect: "none", gives: "char" }),
  calls("String#split", { effect: "none", gives: "String[]" }),
  calls("String#toCharArray", { effect: "none", gives: "char[]" }),
  calls("String#getBytes", { effect: "none", gives: "byte[]" }),
  calls("StringBuilder#toString StringBuffer#toString", { effect: "reads", gives: "String" }),
  calls("StringBuilder#length StringBuffer#length", { effect: "reads", gives: "int" }),
  calls("StringBuilder#append StringBuilder#insert", {
    effect: "changes",
    asksArguments: true,
    gives: "StringBuilder",
  }),
  calls("StringBuffer#append StringBuffer#insert", {
    effect: "changes",
    asksArguments: true,
    gives: "StringBuffer",
  }),

  callsIn("java.util", "Objects.isNull Objects.nonNull", {
    effect: "none",
    neverThrows: true,
    gives: "boolean",
  }),
  callsIn("java.util", "Objects.equals", { effect: "none", asksArguments: true, gives: "boolean" }),
  callsIn("java.util", "Objects.hash Objects.hashCode", {
    effect: "none",
    asksArguments: true,
    gives: "int",
  }),
  callsIn("java.util", "Objects.requireNonNull", { effect: "none", keeps: true }),
  callsIn(
    "java.util",
    "Arrays.asList Collections.unmodifiableList List.of List.copyOf Collections.singletonList",
    {
      effect: "none",
      keeps: true,
      gives: "List",
    },
  ),
  callsIn("java.util", "Collections.emptyList", { effect: "none", gives: "List" }),
  callsIn("java.util", "Collections.unmodifiableSet Set.of Set.copyOf Collections.singleton", {
    effect: "none",
    keeps: true,
    gives: "Set",
  }),
  callsIn("java.util", "Collections.emptySet", { effect: "none", gives: "Set" }),
  callsIn(
    "java.util",
    "Collections.unmodifiableMap Map.of Map.copyOf Map.ofEntries Collections.singletonMap",
    {
      effect: "none",
      keeps: true,
      gives: "Map",
    },
  ),
  callsIn("java.util", "Collections.emptyMap", { effect: "none", gives: "Map" }),
  callsIn("java.util", "Optional.of Optional.ofNullable Optional.empty", {
    effect: "none",
    keeps: true,
    gives: "Optional",
  }),
  callsIn("java.util", "List#get ArrayList#get LinkedList#get Vector#get", { effect: "reads", keeps: true }),
  callsIn("java.util", "List#size ArrayList#size LinkedList#size Vector#size", {
    effect: "reads",
    gives: "int",
  }),
  callsIn("java.util", "Optional#get", { effect: "none", keeps: true }),
  callsIn("java.util", "Optional#isPresent Optional#isEmpty", { effect: "none", gives: "boolean" }),
  callsIn("java.util", "UUID.randomUUID", { effect: "reads", varies: true, gives: "UUID" }),
  callsIn("java.util", "UUID.fromString", { effect: "none", gives: "UUID" }),
  callsIn("java.util", "Arrays.toString Arrays.deepToString", {
    effect: "reads",
    asksArguments: true,
    gives: "String",
  }),
  callsIn("java.util", "Arrays.sort Arrays.fill Collections.sort Collections.reverse", {
    effect: "changes",
    asksArguments: true,
    runs: true,
  }),

  callsIn("java.nio.file", "Files.exists Files.notExists Files.isDirectory Files.isRegularFile", {
    effect: "reads",
    gives: "boolean",
  }),
  callsIn("java.nio.file", "Paths.get Path.of", { effect: "none", gives: "Path" }),
  callsIn("java.nio.file", "Files.newBufferedReader", {
    effect: "changes",
    acquires: true,
    gives: "BufferedReader",
  }),
  callsIn("java.nio.file", "Files.newBufferedWriter", {
    effect: "changes",
    acquires: true,
    gives: "BufferedWriter",
  }),
  callsIn("java.nio.file", "Files.newInputStream", {
    effect: "changes",
    acquires: true,
    gives: "InputStream",
  }),
  callsIn("java.nio.file", "Files.newOutputStream", {
    effect: "changes",
    acquires: true,
    gives: "OutputStream",
  }),
  callsIn("java.nio.file", "Files.newByteChannel", {
    effect: "changes",
    acquires: true,
    gives: "SeekableByteChannel",
  }),
  callsIn("java.nio.file", "Files.newDirectoryStream", {
    effect: "changes",
    acquires: true,
    gives: "DirectoryStream",
  }),
  callsIn("java.nio.file", "Files.lines Files.list Files.walk Files.find", {
    effect: "changes",
    acquires: true,
    gives: "Stream",
  }),
  callsIn("java.nio.file", "Files.readAllLines", { effect: "reads", gives: "List" }),
  callsIn("java.nio.file", "Files.readAllBytes", { effect: "reads", gives: "byte[]" }),
];

/** Classes of the platform. What is scoped and says nothing of an exception declares none when it is closed. */
export const CLASSES: readonly LibraryClasses[] = [
  classes("AutoCloseable", ["scoped"], "Exception"),
  classesIn("java.io", "Closeable InputStream OutputStream Reader Writer", ["scoped"], "IOException"),
  classesIn("java.io", "FileInputStream FileReader", ["scoped", "unseen"], "IOException"),
  classesIn(
    "java.io",
    "FileOutputStream FileWriter RandomAccessFile",
    ["scoped", "unseen", "writes"],
    "IOException",
  ),
  classesIn("java.io", "ByteArrayInputStream", ["scoped", "unseen"], "IOException"),
  classesIn("java.io", "ByteArrayOutputStream StringWriter", ["scoped", "unseen", "writes"], "IOException"),
  classesIn("java.io", "StringReader CharArrayReader", ["scoped", "unseen"]),
  classesIn("java.io", "CharArrayWriter", ["scoped", "unseen", "writes"]),
  classesIn(
    "java.io",
    "BufferedReader BufferedInputStream InputStreamReader DataInputStream ObjectInputStream LineNumberReader " +
      "PushbackReader PushbackInputStream",
    ["scoped", "wraps"],
    "IOException",
  ),
  classesIn(
    "java.io",
    "BufferedWriter BufferedOutputStream OutputStreamWriter DataOutputStream ObjectOutputStream",
    ["scoped", "wraps", "writes"],
    "IOException",
  ),
  classesIn("java.io", "PrintWriter PrintStream", ["scoped", "wraps", "writes"]),
  classesIn(
    "java.io",
    "SequenceInputStream PipedInputStream PipedOutputStream PipedReader PipedWriter",
    ["scoped"],
    "IOException",
  ),
  classesIn("java.util", "Scanner", ["scoped", "wraps"]),
  classesIn("java.util", "Formatter", ["scoped", "wraps", "writes"]),
  classesIn("java.util.zip", "ZipFile", ["scoped", "unseen"], "IOException"),
  classesIn("java.util.jar", "JarFile", ["scoped", "unseen"], "IOException"),
  classesIn("java.util.zip", "GZIPInputStream ZipInputStream", ["scoped", "wraps"], "IOException"),
  classesIn(
    "java.util.zip",
    "GZIPOutputStream ZipOutputStream",
    ["scoped", "wraps", "writes"],
    "IOException",
  ),
  classesIn("java.util.jar", "JarInputStream", ["scoped", "wraps"], "IOException"),
  classesIn("java.util.jar", "JarOutputStream", ["scoped", "wraps", "writes"], "IOException"),
  classesIn(
    "java.util.zip",
    "InflaterInputStream DeflaterOutputStream CheckedInputStream",
    ["scoped"],
    "IOException",
  ),
  classesIn("java.security", "DigestInputStream", ["scoped"], "IOException"),
  classesIn("javax.crypto", "CipherInputStream CipherOutputStream", ["scoped"], "IOException"),
  classesIn("java.net", "Socket ServerSocket URLClassLoader", ["scoped"], "IOException"),
  classesIn("java.net", "DatagramSocket MulticastSocket", ["scoped"]),
  classesIn("javax.net.ssl", "SSLSocket", ["scoped"], "IOException"),
  classesIn(
    "java.sql",
    "Connection Statement PreparedStatement CallableStatement ResultSet",
    ["scoped"],
    "SQLException",
  ),
  classesIn("javax.sql", "RowSet", ["scoped"], "SQLException"),
  classesIn(
    "java.nio.channels",
    "FileChannel SocketChannel ServerSocketChannel DatagramChannel AsynchronousFileChannel ReadableByteChannel " +
      "WritableByteChannel ByteChannel SeekableByteChannel Selector FileLock",
    ["scoped"],
    "IOException",
  ),
  classesIn(
    "java.nio.file",
    "FileSystem DirectoryStream SecureDirectoryStream WatchService",
    ["scoped"],
    "IOException",
  ),
  classesIn("java.util.stream", "Stream IntStream LongStream DoubleStream", ["scoped"]),
  classesIn("java.beans", "XMLDecoder XMLEncoder", ["scoped"]),
  classesIn("javax.sound.sampled", "AudioInputStream", ["scoped"], "IOException"),
  classesIn("javax.imageio.stream", "ImageInputStream ImageOutputStream", ["scoped"], "IOException"),

  classesIn(
    "java.util",
    "Map HashMap LinkedHashMap TreeMap SortedMap NavigableMap EnumMap WeakHashMap IdentityHashMap Hashtable",
    ["map"],
  ),
  classesIn("java.util.concurrent", "ConcurrentMap ConcurrentHashMap", ["map"]),
  classesIn("java.util", "List ArrayList LinkedList Vector AbstractList", ["sequence"]),
  classesIn(
    "java.util",
    "Collection List ArrayList LinkedList Vector Stack AbstractList Set HashSet LinkedHashSet SortedSet NavigableSet TreeSet " +
      "EnumSet Queue Deque ArrayDeque PriorityQueue",
    ["collection"],
  ),
  classesIn("java.util.concurrent", "CopyOnWriteArrayList CopyOnWriteArraySet ConcurrentLinkedQueue", [
    "collection",
  ]),
  classesIn("java.util", "Optional", ["optional"]),
  classes(
    "Object String StringBuilder Integer Long RuntimeException IllegalArgumentException IllegalStateException " +
      "NullPointerException UnsupportedOperationException",
    ["made-quietly"],
  ),
  classesIn(
    "java.util",
    "ArrayList LinkedList HashMap LinkedHashMap TreeMap HashSet LinkedHashSet TreeSet ArrayDeque PriorityQueue Date " +
      "Random EnumMap BitSet NoSuchElementException",
    ["made-quietly"],
  ),
  classesIn("java.util.concurrent", "ConcurrentHashMap CopyOnWriteArrayList CountDownLatch", [
    "made-quietly",
  ]),
  classesIn("java.util.concurrent.atomic", "AtomicInteger AtomicLong AtomicBoolean", ["made-quietly"]),
  classesIn("java.util.concurrent.locks", "ReentrantLock", ["made-quietly", "lock"]),
  classes(
    "Runnable Iterable Comparable AutoCloseable Readable Thread.UncaughtExceptionHandler UncaughtExceptionHandler",
    ["function"],
  ),
  classesIn(
    "java.awt.event",
    "AWTEventListener ActionListener AdjustmentListener HierarchyListener ItemListener MouseWheelListener TextListener WindowStateListener",
    ["function"],
  ),
  classesIn("java.beans", "ExceptionListener PropertyChangeListener VetoableChangeListener", ["function"]),
  classesIn("java.io", "Closeable FileFilter FilenameFilter Flushable ObjectInputFilter", ["function"]),
  classesIn("java.lang.reflect", "InvocationHandler", ["function"]),
  classesIn("java.nio.file", "PathMatcher DirectoryStream.Filter", ["function"]),
  classesIn("java.security", "PrivilegedAction PrivilegedExceptionAction", ["function"]),
  classesIn("java.time.temporal", "TemporalAdjuster TemporalQuery", ["function"]),
  classesIn("java.util", "Comparator Observer", ["function"]),
  classesIn("java.util.concurrent", "Callable Executor RejectedExecutionHandler ThreadFactory", ["function"]),
  classesIn(
    "java.util.function",
    "BiConsumer BiFunction BiPredicate BinaryOperator BooleanSupplier Consumer DoubleBinaryOperator DoubleConsumer DoubleFunction DoublePredicate DoubleSupplier DoubleToIntFunction DoubleToLongFunction DoubleUnaryOperator Function IntBinaryOperator IntConsumer IntFunction IntPredicate IntSupplier IntToDoubleFunction IntToLongFunction IntUnaryOperator LongBinaryOperator LongConsumer LongFunction LongPredicate LongSupplier LongToDoubleFunction LongToIntFunction LongUnaryOperator ObjDoubleConsumer ObjIntConsumer ObjLongConsumer Predicate Supplier ToDoubleBiFunction ToDoubleFunction ToIntBiFunction ToIntFunction ToLongBiFunction ToLongFunction UnaryOperator",
    ["function"],
  ),
  classesIn("java.util.logging", "Filter", ["function"]),
  classesIn("java.util.prefs", "PreferenceChangeListener", ["function"]),
  classesIn("javax.net.ssl", "HandshakeCompletedListener HostnameVerifier", ["function"]),
  classesIn("javax.security.auth.callback", "CallbackHandler", ["function"]),
  classesIn("javax.swing", "ListCellRenderer", ["function"]),
  classesIn(
    "javax.swing.event",
    "CaretListener ChangeListener HyperlinkListener ListSelectionListener TableModelListener TreeSelectionListener UndoableEditListener",
    ["function"],
  ),
  classesIn("javax.swing.table", "TableCellRenderer", ["function"]),
  classesIn("javax.swing.tree", "TreeCellRenderer", ["function"]),
  classesIn("javax.xml.transform", "URIResolver", ["function"]),
  ...OF_LIBRARIES,
];
