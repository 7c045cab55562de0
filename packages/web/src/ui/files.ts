// Hands a text to the browser as a file.

export function saveText(name: string, type: string, text: string): void {
  const address = URL.createObjectURL(new Blob([text], { type: `${type};charset=utf-8` }));
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  // The download has begun by then; the text need not stay in memory.
  setTimeout(() => URL.revokeObjectURL(address), 10_000);
}
