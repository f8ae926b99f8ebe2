//! target 8
using System;
class Gate : IDisposable
{
    public static Gate Make() { return new Gate(); }
    public void Pass() { Console.WriteLine("passed"); }
    public void Dispose() { Console.WriteLine("closed"); }
}
class Program
{
    static void Work()
    {
        using Gate gate = Gate.Make();
        if (gate != null) gate.Pass(); //! certain
    }
    static void Main() { Work(); }
}
