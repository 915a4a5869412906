export { isDatabaseAway } from '@/store/database';
