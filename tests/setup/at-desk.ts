/** What end-to-end tests do at the desk itself; imported once a machine runs, since the settings are read at import. */
export { bringLocalFile } from '@/desk/cut/bring-local-file';
export { editDefaults } from '@/desk/defaults/defaults';
export { newSeries } from '@/desk/defaults/series';
export { sendVideo } from '@/desk/drop/send';
export { setNotices } from '@/desk/notices/set-notices';
export { tell } from '@/desk/notices/tell';
export { editOnChannel, editVideo, tickChannel } from '@/desk/video/edit-video';
export { lookAtSheet } from '@/desk/views/look-at-sheet';
export { closeDatabase, transaction } from '@/store/database';
export {
  bringFile,
  changedAt,
  channelsOfTheYard,
  onlyDrop,
  readVideo,
  setFaults,
  setFaultsAt,
  untilSheet,
  videosAt,
} from './desk';
export { manyVideos } from './many-videos';
