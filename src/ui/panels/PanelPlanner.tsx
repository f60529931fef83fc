import { usePanelPlan, type PanelPlannerProps } from './use-panel-plan';
import { WhatIsSeen, WhatIsAsked, WhoIsCompared, HowMany, WhoJudges } from './PlannerParts';

/** Plans a blind panel: what is asked, what is shown of whom, to how many. */
export function PanelPlanner(props: PanelPlannerProps) {
  const { studyId, marks, zones } = props;
  const plan = usePanelPlan(props);
  const { subject } = plan;

  return (
    <form
      className="grid min-w-0 grid-cols-1 gap-3 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]"
      onSubmit={(event) => {
        event.preventDefault();
        void plan.open();
      }}
    >
      <div className="grid min-w-0 content-start gap-3">
        <WhatIsAsked plan={plan} marks={marks} />
        <WhatIsSeen plan={plan} subject={subject} zones={zones} studyId={studyId} />
      </div>
      <div className="grid min-w-0 content-start gap-3">
        <WhoIsCompared marks={marks} plan={plan} />
        <HowMany plan={plan} />
        <WhoJudges plan={plan} />
        {plan.message && (
          <p role="alert" className="sheet border-plum p-3">
            {plan.message}
          </p>
        )}
        <p className="flex flex-wrap gap-2">
          <button type="submit" className="action action-main" disabled={plan.isBusy}>
            {plan.isBusy ? 'One moment …' : 'Open it for judges'}
          </button>
          <button
            type="button"
            className="action"
            disabled={plan.isBusy}
            onClick={() => void plan.keep()}
          >
            Save plan
          </button>
          {plan.kept !== null && (
            <button
              type="button"
              className="action"
              disabled={plan.isBusy}
              onClick={() => void plan.drop()}
            >
              Discard plan
            </button>
          )}
        </p>
      </div>
    </form>
  );
}
