//! target 8
//! run
using System;

class Hive
{
    public object What = "a hive";
    public int Count = 3;
    public long Weight = 40;
    public string Name = "north";
}

class Yard
{
    static void Put(object o) { Console.WriteLine("object " + o); }
    static void Put(string s) { Console.WriteLine("text " + s); }
    static void Put(int n) { Console.WriteLine("int " + n); }
    static void Put(long n) { Console.WriteLine("long " + n); }
    static void One(object o) { Console.WriteLine("one " + Convert.GetTypeCode(o)); }

    static void Tell(Hive h, object what, string none, int zero)
    {
        if (h != null) Put(h.What); else Put(none); //! held: overloads
        if (h != null) Put(h.Weight); else Put(zero); //! held: overloads
        if (h != null) Put(h.Count); else Put(zero); //! certain
        if (what != null) Put(what); else Put(none); //! held: overloads
        if (h != null) Put(h.What); else Put(null); //! likely
        object weight;
        if (h != null) weight = h.Weight; else weight = zero; //! held: one type
        One(weight);
        if (h != null) One(h.What); else One(null); //! certain
    }

    static object Give(Hive h, int zero)
    {
        if (h != null) return h.Weight; //! held: one type
        return zero;
    }

    static void Main()
    {
        Tell(null, null, "none", 0);
        Tell(new Hive(), "lid", "none", 0);
        One(Give(null, 0));
    }
}
