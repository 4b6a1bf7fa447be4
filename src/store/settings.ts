export { readSetting, writeSetting } from '@/platform/settings';
