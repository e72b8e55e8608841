import type { Knex } from 'knex';
import { FilmBooking } from '../stores/film-booking.js';
import { JobStore } from '../stores/job-store.js';
import { ProgramStore } from '../stores/program-store.js';
import { RunStore } from '../stores/run-store.js';
import { SheetStore } from '../stores/sheet-store.js';
import { ShopStore } from '../stores/shop-store.js';
import { StockBook } from '../stores/stock-book.js';

/** The stores of a database, as the server makes them, without anybody to tell of changes. */
export function storesOn(db: Knex) {
  const [programs, book] = [new ProgramStore(db), new StockBook(db)];
  const shop = new ShopStore(db, book);
  const film = new FilmBooking(shop, book);
  const [sheets, runs] = [new SheetStore(db, programs, film), new RunStore(db, programs, film)];
  return { programs, book, shop, sheets, runs, jobs: new JobStore(db, sheets) };
}
