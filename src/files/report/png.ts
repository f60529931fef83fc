import sharp from 'sharp';
// It says what may be decoded.
import '../photos/pictures';

/** A card as a PNG. */
export const pngOf = (svg: string): Promise<Buffer> =>
  sharp(Buffer.from(svg), { limitInputPixels: 4_000_000 })
    .png({ palette: true, effort: 2, colours: 128 })
    .toBuffer();
