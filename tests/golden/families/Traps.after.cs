using System;
using System.Collections.Generic;
using System.IO;
using System.Threading;

class Gate : IDisposable
{
    public readonly string Name;
    public Gate(string name) { Name = name; Console.WriteLine("open " + name); }
    public int Pass(int n) { if (n < 0) throw new InvalidOperationException("pass " + Name); return n; }
    public void Dispose() { Console.WriteLine("close " + Name); }
}

class Odd
{
    public int N;
    public static bool operator ==(Odd a, Odd b) { return true; }
    public static bool operator !=(Odd a, Odd b) { return false; }
    public override bool Equals(object o) { return true; }
    public override int GetHashCode() { return 0; }
}

class Traps
{
    static event Action<int> Done;
    static int read = 0;
    static string Next() { read++; return read % 2 == 0 ? null : "next"; }
    static readonly object gate = new object();
    static List<int> all;
    static int? maybe;
    static Odd odd = new Odd();

    static int Scoped(int n)
    {
        using (var g = new Gate("a"))
        { return g.Pass(n); }
    }

    static int Straight(int n)
    {
        Gate g = new Gate("b");
        int before = g.Pass(n);
        Console.WriteLine(before);
        g.Dispose();
        return n;
    }

    static Gate Kept()
    {
        Gate g = new Gate("c");
        g.Pass(1);
        return g;
    }

    static void Locked()
    {
        lock (gate)
        { all = all ?? new List<int>(); all.Add(1); }
    }

    static string Shown(string s) { return s ?? "null"; }
    static int Length(string s) { return s?.Length ?? -1; }
    static string Twice() { return Next() != null ? Next() : "twice"; }
    static string OddOne() { return odd == null ? "odd is null" : odd.N.ToString(); }

    static void Main()
    {
        Console.WriteLine(Scoped(1));
        try { Scoped(-1); } catch (InvalidOperationException e) { Console.WriteLine(e.Message); }
        Console.WriteLine(Straight(2));
        try { Straight(-1); } catch (InvalidOperationException e) { Console.WriteLine(e.Message); }
        Kept().Dispose();
        Locked();
        Locked();
        Console.WriteLine(all.Count);
        Done?.Invoke(1);
        Done += n => Console.WriteLine("done " + n);
        Done?.Invoke(2);
        Console.WriteLine(Shown(null) + Shown("") + "|" + Length(null) + Length(""));
        Console.WriteLine(Twice() == null ? "missing" : "there");
        Console.WriteLine(OddOne());
        Console.WriteLine(maybe != null ? maybe.Value : 7);
        maybe = maybe ?? 3;
        Console.WriteLine(maybe);
    }
}
