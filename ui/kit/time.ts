export { shownTime } from '../../application/report/time';
