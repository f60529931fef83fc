import type { ContenderMark } from '../../core/model/study';
import type { ReportPage } from '../../contract/report';
import { SaveNote } from '../records/SaveNote';
import { usePicked } from './picked';
import { Publishing, Readiness } from './Publishing';
import { Revisions } from './Revisions';
import { useReport } from './use-report';
import { Words } from './Words';

interface ReportBenchProps {
  studyId: string;
  studyName: string;
  marks: readonly ContenderMark[];
  page: ReportPage;
}

/** The Report station: words on the left; what is missing, what is in it and what was frozen on the right. */
export function ReportBench({ studyId, studyName, marks, page }: ReportBenchProps) {
  const report = useReport(studyId, page);
  const { picked, drop } = usePicked(studyId);
  return (
    <>
      <div className="mb-2 flex min-h-[28px] flex-wrap items-center gap-3">
        <SaveNote state={report.save} />
        {report.page.isStale && (
          <p className="text-xs text-warn">
            The figures are being recalculated. Try again in a moment.
          </p>
        )}
      </div>
      {picked.length > 0 && (
        <section
          className="mb-3 sheet border-plum-line bg-plum-soft px-3 py-2 text-xs"
          aria-label="Figures picked"
        >
          <p className="flex flex-wrap items-center gap-2">
            <b>Picked on pages of results:</b>
            {picked.map((one) => (
              <span
                key={one.address}
                className="rounded-full border border-plum-line bg-sheet px-2"
              >
                {one.title}{' '}
                <button
                  type="button"
                  aria-label={`Drop ${one.title}`}
                  onClick={() => drop(one.address)}
                >
                  ✕
                </button>
              </span>
            ))}
            <span className="text-ink-2">The next sentence that is added rests on them.</span>
          </p>
        </section>
      )}
      <div className="grid gap-3 lg:grid-cols-[minmax(0,1fr)_372px]">
        <div className="min-w-0">
          <Words studyId={studyId} report={report} marks={marks} />
        </div>
        <div className="min-w-0">
          <Revisions studyId={studyId} studyName={studyName} report={report} />
          <Readiness findings={report.page.findings} studyId={studyId} />
          <Publishing report={report} />
        </div>
      </div>
    </>
  );
}
