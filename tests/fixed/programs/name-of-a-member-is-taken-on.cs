//! target 7.3
//! run
using System;
using System.Collections.Generic;
using System.Linq;

class A
{
    static List<Tuple<string, int>> jars = new List<Tuple<string, int>>(); //! held: which the rule does not know

    static Tuple<string, int> Best(string jar, int n) //! held: which the rule does not know
    {
        return Tuple.Create(jar, n);
    }

    static void Main()
    {
        string jar = "oak";
        int weight = 3;
        jars.Add(Tuple.Create(jar, weight));
        foreach (var one in jars.Select(j => new { j.Item1, j.Item2 })) Console.WriteLine(one.Item1 + one.Item2);
        var t = Tuple.Create(jar, weight); //! held: as a whole
        Console.WriteLine(new { t.Item1 }.Item1 + nameof(t.Item2) + t.Item2);
        var best = Best(jar, weight);
        Console.WriteLine(nameof(best.Item1) + best.Item2);
    }
}
