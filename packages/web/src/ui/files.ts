// Hands files to the browser, to be saved.

/** What lies at an address. @param name what it is to be called; else as the server says */
export function saveFrom(address: string, name = ''): void {
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
}

export function saveText(name: string, type: string, text: string): void {
  const address = URL.createObjectURL(new Blob([text], { type: `${type};charset=utf-8` }));
  saveFrom(address, name);
  // The download has begun by then; the text need not stay in memory.
  setTimeout(() => URL.revokeObjectURL(address), 10_000);
}
