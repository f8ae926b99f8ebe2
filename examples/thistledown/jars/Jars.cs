using System;
using System.Collections.Generic;
using System.IO;
using System.Threading;

namespace Thistledown
{
    public class Label
    {
        public string Text;
        public int Size;
    }

    public class Jar
    {
        public string Lot;
        public Label Label;
    }

    /// <summary>Fills jars from lots and tells whoever wants to know.</summary>
    public class Filler
    {
        public event Action<Jar> Filled;
        private readonly object gate = new object();
        private List<Jar> jars;
        private readonly string village;

        public Filler(string village)
        {
            if (village == null)
            {
                throw new ArgumentNullException("village");
            }
            this.village = village;
        }

        public void Fill(string lot, Label label)
        {
            var jar = new Jar();
            jar.Lot = lot;
            jar.Label = label;
            Monitor.Enter(gate);
            try
            {
                if (jars == null)
                {
                    jars = new List<Jar>();
                }
                jars.Add(jar);
            }
            finally
            {
                Monitor.Exit(gate);
            }
            if (Filled != null)
            {
                Filled(jar);
            }
        }

        public int Count()
        {
            return jars != null ? jars.Count : 0;
        }

        public static string TextOf(Jar jar)
        {
            var label = jar == null ? null : jar.Label;
            return label != null ? label.Text : null;
        }

        public static string Shelf(int size)
        {
            return size > 500 ? "bottom" : size > 250 ? "middle" : "top";
        }

        private Tuple<string, int> Last()
        {
            var jar = jars[jars.Count - 1];
            return Tuple.Create(jar.Lot, jars.Count);
        }

        public string Shown(Jar jar)
        {
            string text = TextOf(jar);
            return village + ": " + (text != null ? text : "no label");
        }

        public void Save(string path)
        {
            StreamWriter writer = new StreamWriter(path);
            try
            {
                foreach (var jar in jars)
                {
                    writer.WriteLine(Shown(jar));
                }
            }
            finally
            {
                writer.Dispose();
            }
        }

        public static string First(string path)
        {
            StreamReader reader = null;
            try
            {
                reader = new StreamReader(path);
                return reader.ReadLine();
            }
            finally
            {
                if (reader != null) reader.Dispose();
            }
        }

        public static void Main(string[] args)
        {
            var filler = new Filler("Mill");
            Console.WriteLine(filler.Count());
            filler.Fill("A1", null);
            filler.Filled += jar => Console.WriteLine("filled " + jar.Lot);
            var label = new Label();
            label.Text = "Heather";
            filler.Fill("A2", label);
            Console.WriteLine(filler.Count() + " " + TextOf(null) + "|");
            var last = filler.Last();
            Console.WriteLine(string.Format("{0} is jar {1}, on the {2} shelf", last.Item1, last.Item2, Shelf(300)));
            filler.Save(args[0]);
            Console.WriteLine(First(args[0]));
            try
            {
                new Filler(null);
            }
            catch (ArgumentNullException e)
            {
                Console.WriteLine(e.ParamName);
            }
        }
    }
}
