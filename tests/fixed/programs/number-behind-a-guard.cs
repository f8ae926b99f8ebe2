//! target 8
class Crate
{
    public int Count;
    public string Name;
}
class Yard
{
    static int? Read(Crate own) { return own != null ? own.Count : (int?)null; } //! certain
    static long? Wide(Crate own) { return own != null ? own.Count : (long?)null; } //! certain
    static string Called(Crate own) { return own != null ? own.Name : null; } //! certain csharp/guarded-read
    static int Value(int? own) { return own != null ? own.Value : 0; }
}
