import { useState } from 'react';
import type { ItemKind } from '../../core/answers/workshop';
import type { CatalogueItem } from '../../contract/workshop';
import { goTo } from '../kit/leave';
import { ApiError, callApi, failureText } from '../kit/request';
import { useOnce } from '../kit/use-once';

/** One field that adds a thing by its name, and asks where one is called the same. */
export function NewItem({ kind, page }: { kind: ItemKind; page: string }) {
  const [name, setName] = useState('');
  const [message, setMessage] = useState<string | null>(null);
  const [twin, setTwin] = useState<CatalogueItem | null>(null);
  const once = useOnce();
  const add = async (evenIfNamed: boolean) => {
    const text = name.trim();
    if (text === '') return;
    setMessage(null);
    setTwin(null);
    try {
      const facts =
        kind === 'material'
          ? { type: text }
          : kind === 'profile'
            ? { name: text, kind: 'stock' }
            : { name: text };
      const made = await callApi<CatalogueItem>('POST', '/things', {
        kind,
        facts,
        ...(evenIfNamed && { evenIfNamed }),
      });
      await goTo(`/${page}/${made.uid}`);
    } catch (error) {
      if (error instanceof ApiError && error.status === 409)
        setTwin(error.current as CatalogueItem);
      setMessage(failureText(error));
    }
  };
  return (
    <form
      className="offer flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        once('add', () => add(false));
      }}
    >
      <input
        className="field w-56"
        aria-label={`Name of a new ${kind}`}
        placeholder={
          kind === 'material'
            ? '+ a material: its type'
            : `+ ${kind === 'artefact' || kind === 'instrument' ? 'an' : 'a'} ${kind}: its name`
        }
        value={name}
        onChange={(event) => setName(event.target.value)}
      />
      <button type="submit" className="action" disabled={name.trim() === ''}>
        Add
      </button>
      {message && (
        <span role="alert" className="flex flex-wrap items-center gap-2 text-warn">
          {message}
          {twin && (
            <>
              <a className="action" href={`/${page}/${twin.uid}`}>
                Use existing
              </a>
              <button type="button" className="action" onClick={() => void add(true)}>
                Add another
              </button>
            </>
          )}
        </span>
      )}
    </form>
  );
}
