import type { Sample } from "./engine/protocol";

/** More code than this makes every keystroke slow. */
const MOST_FILES = 200;
const LARGEST_BYTES = 200_000;

/** Folders that hold code of others. */
const LEFT_OUT = /(^|\/)(node_modules|vendor|dist|build|target|\.[^/]+)\//;

/** Files that were opened, and why others were not. */
export interface OpenedFiles {
  readonly samples: readonly Sample[];
  readonly said: string | undefined;
}

/** Reads the files that a person has opened, as far as they hold code. */
export async function openedFiles(
  files: readonly File[],
  isCode: (path: string) => Promise<boolean>,
): Promise<OpenedFiles> {
  const samples: Sample[] = [];
  let other = 0;
  let large = 0;
  let many = 0;
  for (const file of files) {
    const path = file.webkitRelativePath || file.name;
    if (LEFT_OUT.test(path) || !(await isCode(path))) other++;
    else if (file.size > LARGEST_BYTES) large++;
    else if (samples.length >= MOST_FILES) many++;
    else samples.push({ path, text: (await file.text()).replace(/^\uFEFF/, "") });
  }
  const said = [
    other > 0 ? `${other} of other kinds or of others` : "",
    large > 0 ? `${large} larger than ${LARGEST_BYTES / 1000} kB` : "",
    many > 0 ? `${many} more than the ${MOST_FILES} that fit here` : "",
  ].filter((one) => one !== "");
  return { samples, said: said.length === 0 ? undefined : `Left out: ${said.join(", ")}.` };
}

/** Hands a text to the person as a file. */
export function save(name: string, text: string): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(new Blob([text], { type: "text/plain" }));
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 1000);
}
