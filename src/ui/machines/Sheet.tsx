import type { ReactNode } from 'react';

/** A part of a dossier: a head, what is known, and what to say where nothing is. */
export function Sheet(props: {
  title: string;
  about?: ReactNode;
  isEmpty?: boolean;
  empty?: string;
  children?: ReactNode;
}) {
  return (
    <section className="min-w-0 sheet" aria-label={props.title}>
      <h2 className="border-b border-line px-3 py-2 font-semibold">
        {props.title} <span className="text-xs font-normal text-ink-2">{props.about}</span>
      </h2>
      {props.isEmpty ? (
        <p className="m-2 unknown p-2 text-xs text-ink-2">
          <span className="bg-sheet px-1">{props.empty ?? 'Nothing is known yet.'}</span>
        </p>
      ) : (
        <div className="overflow-x-auto">{props.children}</div>
      )}
    </section>
  );
}
