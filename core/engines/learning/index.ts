/*
 * What a shop's own log teaches: figures that began as trade practice come to be the shop's.
 */
export { learnWeeding, type LoggedWeeding } from './weeding.js';
