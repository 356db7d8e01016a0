// Package money is amounts in whole hundredths of a coin, shared out without a rest.
package money

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"brevium/core/fault"
)

// Amount is so many hundredths of a coin.
type Amount int64

// Most is the largest amount that is taken: a million.
const Most Amount = 100_000_000

// Of is an amount from a number of coins, rounded to the hundredth.
func Of(coins float64) Amount { return Amount(math.Round(coins * 100)) }

// Coins is it as a number.
func (a Amount) Coins() float64 { return float64(a) / 100 }

// String writes it with its hundredths: "12.40".
func (a Amount) String() string {
	sign := ""
	if a < 0 {
		sign, a = "-", -a
	}
	return fmt.Sprintf("%s%d.%02d", sign, a/100, a%100)
}

// Parse reads what people type: "6.50", "6,5", "6". Empty is nothing.
func Parse(text string) (Amount, error) {
	text = strings.TrimSpace(text)
	if text == "" {
		return 0, nil
	}
	f, err := strconv.ParseFloat(strings.Replace(text, ",", ".", 1), 64)
	if err != nil || math.IsNaN(f) {
		return 0, fault.New(fault.NotANumber, "", "%q is not a price; type one such as 6.50", text)
	}
	if f < 0 || f > Most.Coins() {
		return 0, fault.New(fault.CostRange, "", "a price is 0 to a million")
	}
	return Of(f), nil
}

// Share shares an amount out by weights, so that the shares add up to it: each is
// rounded down, and the hundredths left go to those that lost most (the method of
// the largest remainder). Weights that are all nothing share it evenly.
func Share(a Amount, weights []float64) []Amount {
	if len(weights) == 0 {
		return nil
	}
	sum := 0.0
	for _, w := range weights {
		sum += w
	}
	out := make([]Amount, len(weights))
	rest := make([]float64, len(weights))
	left := a
	for i, w := range weights {
		part := float64(a) / float64(len(weights))
		if sum > 0 {
			part = float64(a) * w / sum
		}
		out[i] = Amount(math.Floor(part))
		rest[i] = part - math.Floor(part)
		left -= out[i]
	}
	order := make([]int, len(weights))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(i, j int) int {
		switch {
		case rest[i] > rest[j]:
			return -1
		case rest[i] < rest[j]:
			return 1
		}
		return 0
	})
	for k := 0; left > 0; k++ {
		out[order[k%len(order)]]++
		left--
	}
	return out
}

// steps are how finely a price is asked, up to an amount: nobody asks 4.37.
var steps = []struct{ to, step Amount }{{200, 5}, {500, 10}, {2000, 50}, {10_000, 100}, {Most, 500}}

// Asked rounds a price up to one that is asked at a stall.
func (a Amount) Asked() Amount {
	for _, s := range steps {
		if a <= s.to {
			return (a + s.step - 1) / s.step * s.step
		}
	}
	return a
}
