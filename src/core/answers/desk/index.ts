export { deskTasks, type DeskStudy, type DeskTask, type Loan } from './desk';
