import { NotFoundError } from '../../data';

/** What was asked for; null where there is no such thing. */
export async function foundOrNull<Found>(asked: Promise<Found>): Promise<Found | null> {
  try {
    return await asked;
  } catch (error) {
    if (error instanceof NotFoundError) return null;
    throw error;
  }
}
