//! target 7.2
//! run
using System;
class Crate
{
    int opened;
    string Top { get { opened++; return opened == 1 ? "lid" : null; } }
    string plain = "lid";
    string Name(string d) { return Top != null ? Top : d; } //! likely
    string Plain(string d) { return plain != null ? plain : d; } //! certain csharp/value-or-fallback
    static void Main()
    {
        var crate = new Crate();
        Console.WriteLine(crate.Name("none") ?? "null");
        Console.WriteLine(crate.opened + crate.Plain("none"));
    }
}
