import { useEffect, useState } from "react";

/** The path of a piece of code, whose ending decides the language; taken when the field is left, or with Enter. */
export function PathField({
  path,
  onChange,
}: {
  readonly path: string;
  readonly onChange: (path: string) => void;
}) {
  const [typed, setTyped] = useState(path);
  useEffect(() => setTyped(path), [path]);
  const take = (): void => (typed.trim() === "" ? setTyped(path) : onChange(typed.trim()));
  return (
    <input
      className="path"
      aria-label="Path; its ending decides the language"
      value={typed}
      spellCheck={false}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => event.key === "Enter" && take()}
    />
  );
}
