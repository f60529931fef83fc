export { follow, whyDropped, type Dropped, type Heard, type Step } from './follow';
export {
  LARGEST_MESSAGE,
  machineMessageSchema,
  meterMessageSchema,
  readTopic,
  TOPICS,
  type Topic,
  type MachineMessage,
  type MeterMessage,
} from './messages';
