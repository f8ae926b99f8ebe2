using System;

class Hive
{
    int Weigh(Hive hive)
    {
        using (During(hive))
        {
            // the first frame
            var text = @"a
  b";

            Log.Record(text, // as is
                hive);
        } // done
        // why not
        if (hive.A)
        {
            F($"{x}");
        }
        G();
        One(); Two();
        return IsNot(hive.A) ? (a ?? b) * c : 1 * 2 / (d * e);
    }
}