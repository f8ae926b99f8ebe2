//! target 7.2
//! run
using System;
struct Token : IDisposable
{
    public int Count;
    public void Dispose() { Console.WriteLine("gone " + Count); }
}
class Program
{
    static void Main()
    {
        Token token = new Token();
        try { token.Count = 3; Console.WriteLine("in"); }
        finally { token.Dispose(); }
    }
}
