import { boolean, number, object, type InferType } from 'yup';
import { text } from './fields.ts';

const own = {
  name: text(80, 'The name').min(1, 'Give the press a name').required('Give the press a name'),
  atOnce: number()
    .typeError('Write a whole number of images')
    .integer('Write a whole number of images')
    .min(1, 'At least one image at once')
    .max(64, 'At most 64 images at once')
    .nullable()
    .defined(),
  price: number()
    .typeError('Write the price as a number')
    .min(0, 'A price is 0 or more')
    .max(10_000, 'A price is at most 10 000')
    .nullable()
    .defined(),
  shares: boolean().required(),
  inUse: boolean().required(),
};

/** A press that comes to the house, or is changed. Its token is written only; without one the token that is kept stays. */
export const pressInputSchema = object({
  ...own,
  url: text(300, 'The address')
    .matches(/^https?:\/\/[^\s/?#]+(\/[^\s?#]*)?$/, 'Write the whole address, such as http://127.0.0.1:4400, without ? or #')
    .nullable()
    .defined(),
  token: text(300, 'The token'),
});
export type PressInput = InferType<typeof pressInputSchema>;
