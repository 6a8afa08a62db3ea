/** Hands a file to the browser to be saved. */
export function download(blob: Blob, name: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

/** The same of JSON text, under a name that file systems take. */
export function downloadJson(text: string, name: string): void {
  download(new Blob([text], { type: 'application/json' }), `${name.replace(/[^\p{L}\p{N} -]/gu, '')}.json`);
}
