/** What the file choosers offer; what a file is decided by what is in it. */
export const acceptedFiles = '.svg,.svgz,.dxf,.pdf,.ai,.stl,.png,.jpg,.jpeg,.webp,.gif,.bmp,image/*,application/pdf';

/** Files in what was pasted: pictures and files as they are, SVG text as a file. */
export function filesPasted(data: DataTransfer): File[] {
  const files = Array.from(data.files);
  if (files.length > 0) return files;
  const text = data.getData('text/plain');
  return /<svg[\s>]/i.test(text) ? [new File([text], 'pasted.svg', { type: 'image/svg+xml' })] : [];
}
