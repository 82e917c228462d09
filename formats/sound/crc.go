package sound

// The checksums of FLAC frames (RFC 9639, 9.1.8 and 9.3): polynomials
// x⁸+x²+x+1 and x¹⁶+x¹⁵+x²+1, from zero.
var crc8Table, crc16Table = crcTables()

// crcTables are the sums of a byte, those of 16 bits by how many bytes follow.
func crcTables() (of8 [256]uint8, of16 [4][256]uint16) {
	for i := range 256 {
		a, b := uint8(i), uint16(i)<<8
		for range 8 {
			a = a<<1 ^ a>>7*0x07
			b = b<<1 ^ b>>15*0x8005
		}
		of8[i], of16[0][i] = a, b
	}
	for n := range 3 {
		for i, b := range of16[n] {
			of16[n+1][i] = b<<8 ^ of16[0][b>>8]
		}
	}
	return of8, of16
}

func crc8(data []byte) uint8 {
	sum := uint8(0)
	for _, b := range data {
		sum = crc8Table[sum^b]
	}
	return sum
}

// crc16 takes four bytes at a time, whose parts of the sum are independent.
func crc16(data []byte) uint16 {
	sum := uint16(0)
	for ; len(data) >= 4; data = data[4:] {
		sum = crc16Table[3][data[0]^uint8(sum>>8)] ^ crc16Table[2][data[1]^uint8(sum)] ^ crc16Table[1][data[2]] ^ crc16Table[0][data[3]]
	}
	for _, b := range data {
		sum = sum<<8 ^ crc16Table[0][uint8(sum>>8)^b]
	}
	return sum
}
