//! target 8
using System;
using System.IO;
class Yard
{
    static void Swap(ref StreamReader reader) { reader.Dispose(); reader = new StreamReader("b"); }
    static void Fill(out string name) { name = null; }
    string Read(string path)
    {
        StreamReader reader = new StreamReader(path);
        try
        {
            Swap(ref reader);
            return reader.ReadLine();
        }
        finally
        {
            reader.Dispose();
        }
    }
}
