export type { IncompletePrint, LinkMachine, WallClock } from '../data';
export type { ChainPrint, FollowUpsPage, ShownChain } from '../server/runs/follow-ups';
export type { StudyLink } from '../server/runs/link';
export type { MachineFacts, RunsData } from '../server/runs/page';
