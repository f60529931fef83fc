import QRCode from 'qrcode';

/** A code as the path of a QR drawing, one unit a module, with its size. */
export function qrPath(text: string): { size: number; path: string } {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: 'M' });
  const parts: string[] = [];
  for (let y = 0; y < modules.size; y += 1) {
    for (let x = 0; x < modules.size; x += 1) {
      if (modules.get(y, x)) parts.push(`M${x} ${y}h1v1h-1z`);
    }
  }
  return { size: modules.size, path: parts.join('') };
}
