/** What end-to-end tests do at the desk itself; imported once a machine runs, since the settings are read at import. */
export { bringLocalFile } from '@/desk/bring-local-file';
export { editDefaults } from '@/desk/defaults';
export { editVideo, tickChannel } from '@/desk/edit-video';
export { lookAtSheet } from '@/desk/look-at-sheet';
export { newSeries } from '@/desk/series';
export { closeDatabase } from '@/store/database';
export { channelsOfTheYard, onlyDrop, setFaults, untilSheet } from './desk';
