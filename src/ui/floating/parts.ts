export { ChooseList } from './choose-list';
export { DialogPanel } from './dialog-panel';
export { MenuList } from './menu-list';
export { NoticeList } from './notice-list';
export { PopPanel } from './pop-panel';
export { SureDialog } from './sure-dialog';
export { Tips } from './tips';
