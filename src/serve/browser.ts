import { spawn } from "node:child_process";

const OPENERS: Readonly<Partial<Record<NodeJS.Platform, readonly string[]>>> = {
  darwin: ["open"],
  win32: ["rundll32", "url.dll,FileProtocolHandler"],
};

/** Opens an address in the user's browser; tells whether something was found that does. */
export function openBrowser(address: string): Promise<boolean> {
  const [command = "xdg-open", ...args] = OPENERS[process.platform] ?? ["xdg-open"];
  return new Promise((resolve) => {
    const child = spawn(command, [...args, address], { stdio: "ignore", detached: true });
    child.on("error", () => resolve(false));
    child.on("exit", (code) => resolve(code === 0));
    child.unref();
    // One that stays open is taken to have opened it.
    setTimeout(() => resolve(true), 1000).unref();
  });
}
