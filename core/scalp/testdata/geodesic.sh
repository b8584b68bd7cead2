#!/bin/sh
# Writes geodesic.csv: reference distances on head-sized spheroids from GeodSolve
# (Debian's geographiclib-tools). Columns: equatorial radius, flattening,
# geodetic latitudes and longitudes in degrees, shortest distance. Lengths in mm.
set -eu
cd "$(dirname "$0")"
echo "a,f,lat1,lon1,lat2,lon2,s12" >geodesic.csv
for shape in "95 -0.1" "88 -0.05" "95 0.05" "100 0"; do
	set -- $shape
	while read -r lat1 lon1 lat2 lon2; do
		s12=$(echo "$lat1 $lon1 $lat2 $lon2" | GeodSolve -i -e "$1" "$2" -p 9 | cut -d' ' -f3)
		echo "$1,$2,$lat1,$lon1,$lat2,$lon2,$s12" >>geodesic.csv
	done <<-PAIRS
		-8 90 90 90
		27 0 80 0
		-45 180 60 180
		0 10 0 75
		10 20 55 20
		-20 110 40 110
		5 15 35 60
		-30 150 20 120
		45 -30 50 40
		-10 80 25 100
	PAIRS
done
