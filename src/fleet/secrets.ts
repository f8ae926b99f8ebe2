/** A text without the names and passwords that stand in addresses. */
export function withoutSecrets(text: string): string {
  return text.replace(/\b([a-z][a-z+.-]*:\/\/)[^\s/'"]*@/gi, "$1");
}
