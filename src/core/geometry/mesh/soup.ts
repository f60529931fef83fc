import { WrongInputError } from '../../model/faults';
/** The mesh cannot be read; the message says where and why. */
export class MeshError extends WrongInputError {
  override name = 'MeshError';
}

/** The most triangles that are read. */
export const MOST_TRIANGLES = 4_000_000;

/** Coordinates, in the precision in which the file has them. */
export type Corners = Float32Array | Float64Array;

/** Triangles as they come: nine coordinates each, mm, in one growing array. */
export class Soup {
  #corners: Corners;
  #length = 0;

  /** @param isSingle whether the coordinates are of single precision, as some formats have them */
  constructor(triangles = 1024, isSingle = false) {
    this.#corners = isSingle ? new Float32Array(9 * triangles) : new Float64Array(9 * triangles);
  }

  /** How many triangles there are. */
  get triangles(): number {
    return this.#length / 9;
  }

  /** The coordinates of all corners, x y z of one after another. */
  get corners(): Corners {
    return this.#corners.subarray(0, this.#length);
  }

  /**
   * Adds a corner; three make a triangle.
   *
   * @throws MeshError where it is no place, or there are too many
   */
  add(x: number, y: number, z: number): void {
    if (!Number.isFinite(x) || !Number.isFinite(y) || !Number.isFinite(z)) {
      throw new MeshError(
        `triangle ${Math.floor(this.triangles) + 1} has a corner that is no place (${x}, ${y}, ${z})`,
      );
    }
    if (this.#length + 3 > this.#corners.length) this.#grow();
    this.#corners[this.#length] = x;
    this.#corners[this.#length + 1] = y;
    this.#corners[this.#length + 2] = z;
    this.#length += 3;
  }

  #grow(): void {
    if (this.triangles >= MOST_TRIANGLES) {
      throw new MeshError(`has more than ${MOST_TRIANGLES} triangles: make it coarser`);
    }
    const limit = 9 * MOST_TRIANGLES;
    const size = Math.min(limit, 2 * this.#corners.length);
    const isSingle = this.#corners instanceof Float32Array;
    const grown = isSingle ? new Float32Array(size) : new Float64Array(size);
    grown.set(this.#corners);
    this.#corners = grown;
  }
}
