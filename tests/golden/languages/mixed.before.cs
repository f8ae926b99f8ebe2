using System;

class Hive
{
    int Weigh(Hive hive)
    {
        Begin(hive);
        // the first frame
        var text = @"a
  b";

        Record(text, // as is
            hive);
        Finish(hive); // done
        if (always)
        {
            // why not
            if (hive.A)
            {
                F($"{x}");
            }
            G();
        }
        if (always) { One(); Two(); }
        return!hive.A ? Times(a ?? b, c) : Times(1,2) / Times(d, e);
    }
}