import { holes, need, python, rule, trialsIn } from "../../../core.js";

const { time } = holes({ time: "expression" });
const datetime = need("datetime", "datetime");
const timezone = need("datetime", "timezone");

const NOW = python`${datetime}.utcnow()`;
const FROM = python`${datetime}.utcfromtimestamp(${time})`;

const { rewrites, ignores } = trialsIn("python");

export const utcNow = rule({
  id: "python/utc-now",
  kind: "deprecated",
  title: "Ask for the time in UTC with a time zone",
  why: "utcnow gives a time without a zone, which other functions take for local time. What the new code gives has none either, so that nothing changes: drop `.replace(tzinfo=None)` where all that uses it can take a zone.",
  target: "3.2",
  was: [NOW, FROM],
  becomes: (match) =>
    match.alternative === 0
      ? python`${datetime}.now(${timezone}.utc).replace(tzinfo=None)`
      : python`${datetime}.fromtimestamp(${time}, ${timezone}.utc).replace(tzinfo=None)`,
  trials: [
    rewrites(
      "from datetime import datetime\nt = datetime.utcnow()\n",
      "from datetime import datetime, timezone\nt = datetime.now(timezone.utc).replace(tzinfo=None)\n",
    ),
    rewrites(
      "import datetime\nt = datetime.datetime.utcnow()\n",
      "import datetime\nt = datetime.datetime.now(datetime.timezone.utc).replace(tzinfo=None)\n",
    ),
    rewrites(
      "from datetime import datetime as dt\nt = dt.utcfromtimestamp(3)\n",
      "from datetime import datetime as dt, timezone\nt = dt.fromtimestamp(3, timezone.utc).replace(tzinfo=None)\n",
    ),
    ignores("from hive import datetime\nt = datetime.utcnow()\n"),
    ignores("from datetime import datetime\nt = datetime.now()\n"),
    ignores("from datetime import datetime\nf(datetime.utcnow)\n"),
  ],
});
