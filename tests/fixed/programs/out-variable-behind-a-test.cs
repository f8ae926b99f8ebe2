//! target 8
//! run
using System;
class Hive
{
    public int Weigh(out int jars) { jars = 2; return 3; }
}
class Program
{
    static int Jars(Hive hive)
    {
        if (hive != null && hive.Weigh(out int jars) == 3) return jars; //! held: is given a value only where
        return 0;
    }
    static void Main()
    {
        Console.WriteLine(Jars(new Hive()));
    }
}
