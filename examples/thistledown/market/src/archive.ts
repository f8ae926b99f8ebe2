/** What was remarked of a lot before there were types; an empty remark counts as none. */
export function remarkOf(line: string): string {
  const record = JSON.parse(line);
  const remark = record.remark || "no remark";
  return remark;
}
