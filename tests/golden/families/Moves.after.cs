using System;
using System.Collections.Generic;

struct Size { public int Width; public void Grow() { Width++; } }

class Hive
{
    public string Name;
    public int Bees;
    public override string ToString() { return $"{Name} ({Bees:D2}) {{hive}}"; }
}

static class Moves
{
    static string Kind(int bees, bool isFed)
    {
        if (bees > 100)
        {
            return "strong";
        }
        else if (isFed)
        {
            return "fed";
        }
        else
        {
            return "weak";
        }
    }

    static object Number(int n)
    {
        return n == 1 ? 1 : n == 2 ? 2.5 : 3;
    }

    static int Rank(string taste)
    {
        int rank;
        if (taste == "sweet")
        {
            rank = 1;
        }
        else if (taste == "sour")
        {
            rank = 2;
        }
        else
        {
            rank = 3;
        }
        return rank;
    }

    static (string name, int bees) Best(List<Hive> hives)
    {
        string name = "none";
        int bees = -1;
        foreach (var hive in hives)
            if (hive.Bees > bees) { name = hive.Name; bees = hive.Bees; }
        return (name, bees);
    }

    private static Tuple<int, int> Kept(int low, int high) { return Tuple.Create(low, high); }

    static void Check(string jar, int count)
    {
        if (jar == null) throw new ArgumentNullException(nameof(jar));
        if (count < 0) throw new ArgumentOutOfRangeException(nameof(count), count, "jar");
    }

    static string Described(object thing)
    {
        if (thing is Hive hive)
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
        Console.WriteLine($"{Kind(200, false)} {Kind(1, true)} {Kind(1, false)}");
        Console.WriteLine($"{Number(1).GetType()} {Number(2)} {Number(3).GetType()}");
        Console.WriteLine($"{Rank("sweet")}{Rank("sour")}{Rank("salty")}");
        var best = Best(hives);
        Console.WriteLine(best.name + best.bees + Best(hives).name);
        var pair = (name: hives[0].Name, count: hives.Count);
        Console.WriteLine(pair.name + pair.count);
        Console.WriteLine(Kept(1, 2));
        try { Check(null, 1); } catch (ArgumentException error) { Console.WriteLine(error.ParamName); }
        try { Check("x", -1); } catch (ArgumentException error) { Console.WriteLine(error.ParamName); }
        Console.WriteLine(Described(hives[0]) + Described("text") + Described(3));
        int total = 0;
        foreach (var hive in hives)
        {
            total += hive.Bees;
        }
        Size[] sizes = new Size[2];
        for (int i = 0; i < sizes.Length; i++) { sizes[i].Width = 4; }
        for (int i = 0; i < sizes.Length; i++) { sizes[i].Grow(); }
        int[] jars = { 1, 2 };
        for (int i = 0; i < jars.Length; i++) { int jar = jars[i]; jar = jar * 2; total += jar; }
        foreach (var item in jars) total += item;
        Console.WriteLine(total + sizes[0].Width + sizes[1].Width);
        Console.WriteLine(hives[0]);
        foreach (var item in hives) total += item.Bees + item.Name.Length;
        var twice = hives.GetEnumerator();
        while (twice.MoveNext()) { total += twice.Current.Bees; if (!twice.MoveNext()) break; }
        System.Collections.IEnumerator plain = new System.Collections.ArrayList { "a", "b" }.GetEnumerator();
        while (plain.MoveNext()) { string text = (string)plain.Current; total += text.Length; }
        Console.WriteLine(total);
        object[] all = { "a", "b" };
        Console.WriteLine(string.Format("{0}{1}", all));
        Console.WriteLine($"{"x",-4}|{2.5,4:N1}|{"x"}");
    }
}
