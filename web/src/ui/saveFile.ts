/** Files that the browser saves. */
export function saveFile(file: Blob, name: string): void {
  const url = URL.createObjectURL(file);
  Object.assign(document.createElement('a'), { href: url, download: name }).click();
  // The browser reads the address after the click.
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
