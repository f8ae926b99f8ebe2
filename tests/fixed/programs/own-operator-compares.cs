//! target 7.2
//! run
using System;
class Queen
{
    public bool Gone;
    public static bool operator ==(Queen a, Queen b)
    {
        return object.ReferenceEquals(a, b) || a.Gone;
    }
    public static bool operator !=(Queen a, Queen b) { return !(a == b); }
    public override bool Equals(object other) { return this == (other as Queen); }
    public override int GetHashCode() { return 1; }
}
class Program
{
    static Queen Pick(Queen queen, Queen other) { return queen != null ? queen : other; } //! held
    static void Main()
    {
        var spare = new Queen();
        Console.WriteLine(object.ReferenceEquals(Pick(new Queen { Gone = true }, spare), spare));
    }
}
