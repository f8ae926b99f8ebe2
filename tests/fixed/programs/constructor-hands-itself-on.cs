//! target 7.2
//! run
using System;
using System.Collections.Generic;
class Gate : IDisposable
{
    public static List<Gate> All = new List<Gate>();
    public bool Open = true;
    public Gate() { All.Add(this); }
    public void Pass(int n) { if (n < 0) throw new InvalidOperationException("no"); }
    public void Dispose() { Open = false; }
}
class Program
{
    static void Work(int n)
    {
        Gate gate = new Gate(); //! likely
        gate.Pass(n);
        gate.Dispose();
    }
    static void Main()
    {
        try { Work(-1); } catch (InvalidOperationException) { Console.WriteLine(Gate.All[0].Open); }
    }
}
