interface NothingToInspectProps {
  studyId: string;
  artefacts: readonly { id: string; name: string; zones: number }[];
}

/** Why there is nothing to inspect, and the step that changes it. */
export function NothingToInspect({ studyId, artefacts }: NothingToInspectProps) {
  const bare = artefacts.filter(({ zones }) => zones === 0);
  const base = `/studies/${studyId}`;
  if (artefacts.length === 0) {
    return (
      <p className="sheet p-4">
        You inspect printed parts zone by zone. This study has no artefact yet.{' '}
        <a className="underline" href={`${base}/artefacts`}>
          Add an artefact
        </a>
        .
      </p>
    );
  }
  if (bare.length === artefacts.length) {
    return (
      <div className="sheet p-4">
        <p>
          A zone is a place on a part that you grade, such as an overhang or the first layer. No
          artefact has zones yet.
        </p>
        <ul className="mt-2 flex flex-wrap gap-2">
          {bare.map(({ id, name }) => (
            <li key={id}>
              <a className="action" href={`${base}/artefacts/${encodeURIComponent(id)}#zones`}>
                Add zones to {name}
              </a>
            </li>
          ))}
        </ul>
      </div>
    );
  }
  return (
    <p className="sheet p-4">
      You inspect parts of finished prints. No artefact with zones is printed yet.{' '}
      <a className="underline" href={`${base}/runs`}>
        Start a print
      </a>
      .
    </p>
  );
}
