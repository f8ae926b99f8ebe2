using System;
using System.Collections.Generic;

struct Size { public int Width; public void Grow() { Width++; } }

class Hive
{
    public string Name;
    public int Bees;
    public override string ToString() { return string.Format("{0} ({1:D2}) {{hive}}", Name, Bees); }
}

static class Moves
{
    static string Kind(int bees, bool isFed)
    {
        return bees > 100 ? "strong" : isFed ? "fed" : "weak";
    }

    static object Number(int n)
    {
        return n == 1 ? 1 : n == 2 ? 2.5 : 3;
    }

    static int Rank(string taste)
    {
        int rank = taste == "sweet" ? 1 : (taste == "sour" ? 2 : 3);
        return rank;
    }

    static Tuple<string, int> Best(List<Hive> hives)
    {
        string name = "none";
        int bees = -1;
        foreach (var hive in hives)
            if (hive.Bees > bees) { name = hive.Name; bees = hive.Bees; }
        return Tuple.Create(name, bees);
    }

    private static Tuple<int, int> Kept(int low, int high) { return Tuple.Create(low, high); }

    static void Check(string jar, int count)
    {
        if (jar == null) throw new ArgumentNullException("jar");
        if (count < 0) throw new ArgumentOutOfRangeException("count", count, "jar");
    }

    static string Described(object thing)
    {
        var hive = thing as Hive;
        if (hive != null)
        {
            return hive.Name;
        }
        var text = thing as string;
        if (text != null) return text;
        return text == null ? "nothing" : text;
    }

    static void Main()
    {
        var hives = new List<Hive> { new Hive { Name = "oak", Bees = 3 }, new Hive { Name = "elm", Bees = 7 } };
        Console.WriteLine("{0} {1} {2}", Kind(200, false), Kind(1, true), Kind(1, false));
        Console.WriteLine("{0} {1} {2}", Number(1).GetType(), Number(2), Number(3).GetType());
        Console.WriteLine("{0}{1}{2}", Rank("sweet"), Rank("sour"), Rank("salty"));
        var best = Best(hives);
        Console.WriteLine(best.Item1 + best.Item2 + Best(hives).Item1);
        var pair = Tuple.Create(hives[0].Name, hives.Count);
        Console.WriteLine(pair.Item1 + pair.Item2);
        Console.WriteLine(Kept(1, 2));
        try { Check(null, 1); } catch (ArgumentException error) { Console.WriteLine(error.ParamName); }
        try { Check("x", -1); } catch (ArgumentException error) { Console.WriteLine(error.ParamName); }
        Console.WriteLine(Described(hives[0]) + Described("text") + Described(3));
        int total = 0;
        for (int i = 0; i < hives.Count; i++)
        {
            var hive = hives[i];
            total += hive.Bees;
        }
        Size[] sizes = new Size[2];
        for (int i = 0; i < sizes.Length; i++) { sizes[i].Width = 4; }
        for (int i = 0; i < sizes.Length; i++) { sizes[i].Grow(); }
        int[] jars = { 1, 2 };
        for (int i = 0; i < jars.Length; i++) { int jar = jars[i]; jar = jar * 2; total += jar; }
        for (int i = 0; i < jars.Length; i++) total += jars[i];
        Console.WriteLine(total + sizes[0].Width + sizes[1].Width);
        Console.WriteLine(hives[0]);
        var it = hives.GetEnumerator();
        while (it.MoveNext()) total += it.Current.Bees + it.Current.Name.Length;
        var twice = hives.GetEnumerator();
        while (twice.MoveNext()) { total += twice.Current.Bees; if (!twice.MoveNext()) break; }
        System.Collections.IEnumerator plain = new System.Collections.ArrayList { "a", "b" }.GetEnumerator();
        while (plain.MoveNext()) { string text = (string)plain.Current; total += text.Length; }
        Console.WriteLine(total);
        object[] all = { "a", "b" };
        Console.WriteLine(string.Format("{0}{1}", all));
        Console.WriteLine(string.Format("{1,-4}|{0,4:N1}|{1}", 2.5, "x"));
    }
}
