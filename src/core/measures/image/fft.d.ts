declare module 'fft.js' {
  /** A transform of a size that is a power of two. */
  export default class FFT {
    constructor(size: number);
    createComplexArray(): number[];
    /** Fills the first half of the spectrum; parts stand real, imaginary, one after another. */
    realTransform(out: number[], data: ArrayLike<number>): void;
  }
}
