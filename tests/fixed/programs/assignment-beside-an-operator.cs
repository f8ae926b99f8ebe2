//! target 8
class Maker
{
    string x;
    static string Make() { return "made"; }
    string Get()
    {
        if (x != null) return x; //! likely
        return x = Make();
    }
}
