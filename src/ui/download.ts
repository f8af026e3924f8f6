/** Hand a file to the person. */
export function download(name: string, content: string | Blob, type: string): void {
  const url = URL.createObjectURL(
    content instanceof Blob ? content : new Blob([content], { type: `${type};charset=utf-8` }),
  );
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** A file name from a title: plain letters, digits and dashes. */
export function fileName(title: string, extension: string): string {
  const plain = title
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase();
  return `${plain || 'sheet'}.${extension}`;
}
