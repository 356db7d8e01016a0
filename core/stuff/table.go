// Package stuff says what card and glue do: how stiff a card is and where it cracks, what a
// floor, a joint, a handle and a stack carry, how air gets out from under a lid, and how much
// hands scatter.
//
// Units: mm, N, MPa (N/mm²), g/m² and grams. D is a bending stiffness per width, in N·mm.
// Stiffness is known to ±40 %, a sag to ±20 %: what is told of it is told as "about".
package stuff

import (
	"fmt"
	"reflect"
	"slices"

	"brevium/core/fault"
)

// Table has every constant of the room. One's own are put into it with Set; the usual one is
// Usual. Each field's tag says its id, its unit, what it means and where it is known from.
type Table struct {
	Modulus       float64 `id:"card.modulus" unit:"MPa" means:"how stiff card of bulk 1.25 is, mean of both ways" from:"board: 2.5–3.5 GPa across, 5–7 along"`
	BulkPower     float64 `id:"card.bulk-power" means:"how fast stiffness falls as the bulk grows" from:"board of bulk 1.25 to 1.6"`
	TwoWays       float64 `id:"card.two-ways" means:"how many times stiffer card is along its grain than across" from:"board: 2 to 1"`
	TensileAlong  float64 `id:"card.tensile-along" unit:"N/mm per g/m²" means:"what card takes pulled along its grain" from:"ISO 1924"`
	TensileAcross float64 `id:"card.tensile-across" unit:"N/mm per g/m²" means:"what card takes pulled across its grain" from:"ISO 1924"`
	ShortAlong    float64 `id:"card.short-along" unit:"N/mm per g/m²" means:"what its edge takes pressed along the grain" from:"ISO 9895"`
	ShortAcross   float64 `id:"card.short-across" unit:"N/mm per g/m²" means:"what its edge takes pressed across the grain" from:"ISO 9895"`
	SwellAcross   float64 `id:"card.swell-across" unit:"% per 10 points" means:"how much card grows across its grain with the air's damp" from:"ISO 8226"`
	SwellAlong    float64 `id:"card.swell-along" unit:"% per 10 points" means:"how much it grows along its grain" from:"ISO 8226"`

	CrackThick    float64 `id:"crack.thickness" unit:"mm" means:"the thickness whose fold along the grain is 1" from:"240 gsm, 1.25"`
	CrackAcross   float64 `id:"crack.across" means:"how much worse a fold across the grain is" from:"practice"`
	CrackCoated   float64 `id:"crack.coated" means:"how much worse coated and white-core card folds" from:"practice"`
	CrackTextured float64 `id:"crack.textured" means:"how much better soft textured card folds" from:"practice"`
	CrackFlat     float64 `id:"crack.flat" means:"how much worse a fold of 150° and over is" from:"practice"`
	CrackDry      float64 `id:"crack.dry" means:"how much worse card folds under 35 % damp" from:"practice"`
	CrackFolds    float64 `id:"crack.folds" means:"a fold up to this index folds well" from:"practice"`
	CrackWarns    float64 `id:"crack.warns" means:"a fold over this index breaks" from:"practice"`

	FirmThick float64 `id:"firm.thickness" unit:"mm" means:"a thickness that is firm" from:"240 gsm is firm to 150 mm"`
	FirmSpan  float64 `id:"firm.span" unit:"mm" means:"the span over which that is firm" from:"the same thumb dents alike: s²/t³"`
	FirmWarns float64 `id:"firm.warns" means:"the share of the wanted thickness under which it is flimsy" from:"practice"`
	BulkMost  float64 `id:"bulk.most" unit:"mm" means:"the most card in one place" from:"practice"`

	GrainMost   float64 `id:"grain.most" unit:"mm" means:"how far parts with crossed grain may move" from:"half a snug gap"`
	GrainDamp   float64 `id:"grain.damp" unit:"points" means:"how much the air's damp changes" from:"a winter room and an autumn one"`
	CurlMost    float64 `id:"curl.most" unit:"mm" means:"the most that a face may bow" from:"practice"`
	CurlCrossed float64 `id:"curl.crossed" means:"how much two crossed grains swell apart" from:"ISO 8226, 14 points"`
	CurlWet     float64 `id:"curl.wet" means:"how much wet glue swells a paper" from:"practice: .004 to .0065"`
	CockleThin  float64 `id:"cockle.thin" unit:"g/m²" means:"paper up to this cockles under wet glue" from:"practice"`
	CockleThick float64 `id:"cockle.thick" unit:"g/m²" means:"paper up to this does on large faces" from:"practice"`
	CockleArea  float64 `id:"cockle.area" unit:"mm²" means:"what is a large face" from:"practice"`

	Swing       float64 `id:"load.swing" means:"lifting and swinging, times the weight" from:"practice"`
	SafeOK      float64 `id:"load.safe" means:"how many times it must carry" from:"practice"`
	SafeWarns   float64 `id:"load.barely" means:"how many times it must carry at the very least" from:"practice"`
	Creep       float64 `id:"sag.creep" means:"a day, and damp" from:"practice"`
	SagStretch  float64 `id:"sag.stretch" means:"what a floor's pull bears, times Et" from:"plates of small thickness"`
	SagLeast    float64 `id:"sag.least" unit:"mm" means:"a sag that nobody sees" from:"practice"`
	SagShare    float64 `id:"sag.share" means:"the part of the shorter side a floor may sag" from:"1/65"`
	SagMore     float64 `id:"sag.more" unit:"mm" means:"a sag that is too much on any floor" from:"practice"`
	SagMost     float64 `id:"sag.most" means:"the part of the shorter side that is too much" from:"1/40"`
	HandleGrams float64 `id:"handle.grams" unit:"g" means:"more than this is carried from below" from:"practice"`
	BradPull    float64 `id:"handle.brad" unit:"N/mm²" means:"what card bears beside a brad" from:"tensile of card"`

	StackBox     float64 `id:"stack.box" means:"what hand scores and corners leave of a wall's strength" from:"practice"`
	StackRolledD float64 `id:"stack.rolled-stiff" means:"how much stiffer a rolled and glued wall is" from:"two layers glued all over: 2³"`
	StackRolledF float64 `id:"stack.rolled-strong" means:"how much stronger its edge is" from:"two layers"`
	StackLong    float64 `id:"stack.long" means:"weeks, and damp" from:"practice"`
	StackCrate   float64 `id:"stack.crate" means:"in a crate that is carried" from:"3 times 1.8"`

	AirThick float64 `id:"air.viscosity" unit:"Pa·s" means:"how thick air is" from:"1.8e-5 at 20 °C"`
	AirSlow  float64 `id:"air.slow" unit:"s" means:"how long a lid may take to sink" from:"practice"`
	ByWeight float64 `id:"scatter.by-weight" means:"how far off a thickness is that is known by weight alone" from:"8 %"`
	Usable   float64 `id:"scatter.usable" means:"the chance of a usable fit that is enough" from:"practice"`
	Together float64 `id:"scatter.together" means:"the share of the scatter that a batch has in common" from:".5 while the fence stays"`
}

// Usual is the table as it is where nobody has changed it.
func Usual() Table {
	return Table{
		Modulus: 3500, BulkPower: 1.7, TwoWays: 2, TensileAlong: .05, TensileAcross: .025, ShortAlong: .025, ShortAcross: .015,
		SwellAcross: .15, SwellAlong: .04,
		CrackThick: .30, CrackAcross: 1.35, CrackCoated: 1.25, CrackTextured: .85, CrackFlat: 1.15, CrackDry: 1.15, CrackFolds: 1.6, CrackWarns: 2.2,
		FirmThick: .30, FirmSpan: 150, FirmWarns: .55, BulkMost: 1.5,
		GrainMost: .3, GrainDamp: 20, CurlMost: 3, CurlCrossed: .0015, CurlWet: .004, CockleThin: 120, CockleThick: 170, CockleArea: 5000,
		Swing: 2, SafeOK: 3, SafeWarns: 1.5, Creep: 1.5, SagStretch: 3, SagLeast: 2, SagShare: 1. / 65, SagMore: 4, SagMost: 1. / 40,
		HandleGrams: 500, BradPull: 10,
		StackBox: .4, StackRolledD: 8, StackRolledF: 2, StackLong: 1.8, StackCrate: 5.4,
		AirThick: 1.8e-5, AirSlow: 8, ByWeight: .08, Usable: .8, Together: .5,
	}
}

// Constant is one entry of the table, for people to read and change.
type Constant struct {
	ID, Unit, Means, From string
	Value, Usual          float64
}

// Constants lists the table in its order.
func (t Table) Constants() []Constant {
	usual := Usual()
	v, u := reflect.ValueOf(t), reflect.ValueOf(usual)
	var out []Constant
	for i := range v.NumField() {
		tag := v.Type().Field(i).Tag
		out = append(out, Constant{ID: tag.Get("id"), Unit: tag.Get("unit"), Means: tag.Get("means"), From: tag.Get("from"), Value: v.Field(i).Float(), Usual: u.Field(i).Float()})
	}
	return out
}

// farthest is how many times larger or smaller than usual a constant may be.
const farthest = 20

// Set gives a constant another value; one that is unknown, or nowhere near the usual, is refused.
func (t *Table) Set(id string, value float64) error {
	all := t.Constants()
	i := slices.IndexFunc(all, func(c Constant) bool { return c.ID == id })
	if i < 0 {
		return fault.New(fault.UnknownField, fault.Path("constants", id), "%q is no constant of card and glue", id)
	}
	if least, most := all[i].Usual/farthest, all[i].Usual*farthest; !(value >= least && value <= most) {
		return fault.New(fault.OutOfRange, fault.Path("constants", id), "%s: %s to %s, usually %s", all[i].Means, number(least), number(most), number(all[i].Usual))
	}
	reflect.ValueOf(t).Elem().Field(i).SetFloat(value)
	return nil
}

// number writes a constant with the digits that count.
func number(x float64) string { return fmt.Sprintf("%.3g", x) }
