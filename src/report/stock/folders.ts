/** The folder that a file is in, with `.` for the root. */
export function folderOfPath(path: string): string {
  const at = path.lastIndexOf("/");
  return at < 0 ? "." : path.slice(0, at);
}
