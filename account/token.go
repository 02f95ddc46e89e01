package account

import (
	"crypto/rand"
	"crypto/sha256"
	"encoding/hex"
	"net/netip"
)

// Token returns a new secret of 130 bits for a link or a device, and the hash under which it is kept.
func Token() (secret, hash string) {
	secret = rand.Text()
	return secret, Hash(secret)
}

// Hash is what is kept of a secret with enough bits of its own, or of a subject whose name is not to be read.
func Hash(secret string) string {
	sum := sha256.Sum256([]byte(secret))
	return hex.EncodeToString(sum[:])
}

// Network is what stands for an address when tries are counted: the address itself in IPv4, the network of 64 bits that one
// subscriber has in IPv6.
func Network(address string) string {
	ip, err := netip.ParseAddr(address)
	if err != nil {
		return address
	}
	if ip = ip.Unmap().WithZone(""); ip.Is4() {
		return ip.String()
	}
	net, err := ip.Prefix(64)
	if err != nil {
		return ip.String()
	}
	return net.String()
}
