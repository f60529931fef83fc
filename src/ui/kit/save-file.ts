/** Gives a file to the person at the browser. */
export function saveFile(name: string, content: BlobPart, type: string): void {
  const link = document.createElement('a');
  link.download = name;
  link.href = URL.createObjectURL(new Blob([content], { type }));
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
}

/** A name for a file from a title as people read it. */
export const fileName = (title: string): string =>
  title
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 80) || 'vergleich';
