export { follow, STANDS_STILL_S, whyDropped, type Heard, type Step } from './follow';
export {
  LARGEST_MESSAGE,
  machineMessageSchema,
  meterMessageSchema,
  readTopic,
  TOPICS,
  type MachineMessage,
  type MeterMessage,
} from './messages';
