//! target 8
class Yard
{
    static Hive Pick(Hive a, Hive b)
    {
        return a != null ? a : b; //! held: has an operator
    }
}

class Hive
{
#if STRICT
    public int Weight;
#else
    public static bool operator ==(Hive a, Hive b) { return true; }
    public static bool operator !=(Hive a, Hive b) { return false; }
#endif
}
