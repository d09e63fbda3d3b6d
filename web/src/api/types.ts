/** Short names for the values that the API's schema describes. */
import type { components } from './schema';

type Schemas = components['schemas'];

export type Job = Schemas['Job'];
export type Bay = Schemas['Bay'];
export type Unit = Schemas['Unit'];
export type SetUp = Schemas['SetUp'];
export type Instrument = Schemas['Instrument'];
export type ShimKit = Schemas['ShimKit'];
export type Offset = Schemas['Offset'];
export type Slope = Schemas['Slope'];
export type Span = Schemas['Span'];
export type Reading = Offset | Slope | Span;
export type SurfaceName = Schemas['Offset']['surface'];
export type Place = Schemas['Place'];
export type SurfaceShape = Schemas['SurfaceShape'];
export type Station = Schemas['Station'];
export type ReadingVerdict = Schemas['ReadingVerdict'];
export type BayFit = Schemas['BayFit'];
export type Plan = Schemas['Plan'];
export type Shim = Schemas['Shim'];
export type Packing = Schemas['Packing'];
export type Filling = Schemas['Filling'];
export type Finding = Schemas['Finding'];
export type Figure = Schemas['Figure'];
export type School = Schemas['School'];
export type Datum = BayFit['datum'];
export type BackLine = Schemas['BackLine'];
export type StoredJob = Schemas['StoredJob'];
export type JobLine = Schemas['JobLine'];
export type Session = Schemas['Session'];
export type Fault = Schemas['Fault'];
export type LengthUnit = Job['units'];
export type Kept = Schemas['Kept'];
export type Revision = Schemas['Revision'];
