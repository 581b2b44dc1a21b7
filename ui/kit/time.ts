export { shownTime } from '../../formats/time';
