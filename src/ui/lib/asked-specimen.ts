interface Named {
  specimen_id: string;
  code: string | null;
}

/**
 * The specimen that an address asks for, by its id or by the code of its sticker, whose case does not matter.
 *
 * @param asked null where the address asks for none
 */
export function askedSpecimen<Specimen extends Named>(
  specimens: readonly Specimen[],
  asked: string | null,
): Specimen | undefined {
  if (asked === null) return undefined;
  const code = asked.toLowerCase();
  return (
    specimens.find((one) => one.specimen_id === asked) ??
    specimens.find((one) => one.code?.toLowerCase() === code)
  );
}
